-- +goose Up
-- Which kitchen a piece of work has made: who asks again after a break gets that one, and not another.
create table restored (
    work_id    uuid primary key,
    kitchen_id uuid not null references kitchen on delete cascade,
    at         timestamptz not null default now()
);

-- +goose Down
drop table restored;
