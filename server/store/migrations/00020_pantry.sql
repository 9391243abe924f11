-- +goose Up
-- What a kitchen has in store, and in what packs its shops sell.
create table pantry (
    kitchen_id uuid primary key references kitchen,
    has        jsonb not null check (jsonb_typeof(has) = 'object')
);

-- +goose Down
drop table pantry;
