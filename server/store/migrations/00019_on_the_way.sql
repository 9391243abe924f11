-- +goose Up
-- A dessert on its way into the oven, and what is called out until then.
create table on_the_way (
    id         uuid primary key,
    kitchen_id uuid not null references kitchen,
    title      text not null check (length(title) between 1 and 80),
    ready_at   timestamptz not null,
    steps      jsonb not null check (jsonb_typeof(steps) = 'array')
);

-- +goose Down
drop table on_the_way;
