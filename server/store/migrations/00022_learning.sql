-- +goose Up
-- Thickeners and toppings may have figures of the kitchen's own too.
alter table own_row drop constraint own_row_kind_check;
alter table own_row add constraint own_row_kind_check check (kind in ('fruit', 'ingredient', 'thickener', 'topping'));

-- What a kitchen says of what its log teaches: what is not used, and which ovens have changed.
create table learning (
    kitchen_id uuid primary key references kitchen,
    says       jsonb not null check (jsonb_typeof(says) = 'object')
);

-- The corrections that a log has taught, each time they changed: a bake keeps the version that it was predicted with.
create table learnt (
    kitchen_id uuid not null references kitchen,
    version    integer not null check (version > 0),
    at         timestamptz not null,
    used       jsonb not null check (jsonb_typeof(used) = 'object'),
    primary key (kitchen_id, version)
);

alter table bake add column learnt integer;

-- +goose Down
alter table bake drop column learnt;
drop table learnt;
drop table learning;
delete from own_row where kind in ('thickener', 'topping');
alter table own_row drop constraint own_row_kind_check;
alter table own_row add constraint own_row_kind_check check (kind in ('fruit', 'ingredient'));
