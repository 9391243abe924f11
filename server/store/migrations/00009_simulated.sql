-- +goose Up
-- What the scale showed before a dessert went in, and how the simulation is driven: a bake that runs faster is moved back in time,
-- so that the clock itself stays true.
alter table watch
    add column weighed jsonb not null default '[]' check (jsonb_typeof(weighed) = 'array'),
    add column speed   integer not null default 1 check (speed between 1 and 60),
    add column doors   jsonb not null default '[]' check (jsonb_typeof(doors) = 'array');
drop trigger watch_inputs_kept on watch;
create trigger watch_inputs_kept before update of question, answer, weighed, card_id, version on watch for each row execute function keep_saved();

-- +goose Down
drop trigger watch_inputs_kept on watch;
create trigger watch_inputs_kept before update of question, answer, started_at, card_id, version on watch for each row execute function keep_saved();
alter table watch drop column weighed, drop column speed, drop column doors;
