-- +goose Up
-- Every purchase that was added to the stock, by the id that its sender gave it: sent again, it is added once.
create table stock_purchase (
    kitchen_id uuid not null references kitchen,
    id         uuid not null,
    lines      jsonb not null check (jsonb_typeof(lines) = 'array'),
    added_at   timestamptz not null,
    primary key (kitchen_id, id)
);

-- A digest of what a countdown was started with: the same id sent with something else is refused.
alter table on_the_way add column asked text not null default '' check (length(asked) <= 64);

-- +goose Down
alter table on_the_way drop column asked;
drop table stock_purchase;
