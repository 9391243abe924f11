-- +goose Up
-- What a kitchen has for its days (hands, tiers, places), and each day: what is wanted, and how it was laid last.
create table house (
    kitchen_id uuid primary key references kitchen,
    has        jsonb not null check (jsonb_typeof(has) = 'object')
);

create table day (
    kitchen_id uuid not null references kitchen,
    on_date    date not null,
    asked      jsonb not null check (jsonb_typeof(asked) = 'object'),
    laid       jsonb check (jsonb_typeof(laid) = 'object'),
    laid_of    text not null default '', -- the revision of what was asked when it was laid
    primary key (kitchen_id, on_date)
);

-- +goose Down
drop table day, house;
