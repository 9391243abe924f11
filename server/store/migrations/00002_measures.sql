-- +goose Up
-- How a kitchen measures and what it reads, how many of a dish it has, and what it knows better than the tables.

alter table kitchen
    add column eggs       text not null default 'uk' check (eggs in ('us', 'uk')),
    add column weights    text not null default 'g' check (weights in ('g', 'oz', 'spoons')),
    add column heat       text not null default 'c' check (heat in ('c', 'f', 'gas', 'fan')),
    add column lengths    text not null default 'cm' check (lengths in ('cm', 'in')),
    add column currency   text not null default '€' check (length(currency) <= 8),
    add column containers jsonb not null default '{}' check (jsonb_typeof(containers) = 'object');

alter table dish add column count integer not null default 1 check (count between 1 and 500);

create table own_row (
    kitchen_id uuid not null references kitchen,
    kind       text not null check (kind in ('fruit', 'ingredient')),
    key        text not null check (length(key) between 1 and 60),
    copy_of    text not null default '' check (length(copy_of) <= 60),
    name       text not null default '' check (length(name) <= 80),
    figures    jsonb not null default '{}' check (jsonb_typeof(figures) = 'object'),
    allergens  jsonb check (jsonb_typeof(allergens) = 'array'),
    changed_at timestamptz not null default now(),
    primary key (kitchen_id, kind, key)
);

-- +goose Down
drop table own_row;
alter table dish drop column count;
alter table kitchen drop column eggs, drop column weights, drop column heat, drop column lengths, drop column currency, drop column containers;
