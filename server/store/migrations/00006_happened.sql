-- +goose Up
-- What was told of a bake beside the first questions, and how it went on the oven watch.
alter table bake
    add column told     jsonb not null default '{}' check (jsonb_typeof(told) = 'object'),
    add column happened jsonb check (jsonb_typeof(happened) = 'object');
create trigger bake_happened_kept before update of happened on bake for each row execute function keep_saved();

-- +goose Down
drop trigger bake_happened_kept on bake;
alter table bake drop column told, drop column happened;
