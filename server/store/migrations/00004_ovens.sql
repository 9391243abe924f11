-- +goose Up
-- What a kitchen knows of its ovens, how high it lies, and the shelf that a bake stands on.
alter table kitchen add column altitude_m double precision not null default 0 check (altitude_m between -430 and 6000);

alter table oven
    add column kind           text not null default 'oven' check (kind in ('oven', 'camp')),
    add column offset_c       double precision not null default 0 check (offset_c between -80 and 80),
    add column give_or_take_c double precision not null default 0 check (give_or_take_c between 0 and 60),
    add column dial           text not null default '' check (dial in ('', 'c', 'f', 'gas')),
    add column runners        integer not null default 0 check (runners between 0 and 12),
    add column bottom_heat    boolean not null default false,
    add column diameter_cm    double precision not null default 0 check (diameter_cm = 0 or diameter_cm between 15 and 60),
    add column gone           boolean not null default false, -- cards and the log keep the oven that they were baked in
    add check (kind = 'oven' or diameter_cm > 0),
    drop constraint oven_kitchen_id_name_key;
create unique index oven_name on oven (kitchen_id, name) where not gone;

alter table card_version
    add column shelf     text not null default '' check (shelf in ('', 'low', 'middle', 'high')),
    add column filling_c double precision check (filling_c between -30 and 105),
    add column dish_c    double precision check (dish_c between -30 and 300);
alter table bake
    add column shelf     text not null default '' check (shelf in ('', 'low', 'middle', 'high')),
    add column filling_c double precision check (filling_c between -30 and 105),
    add column dish_c    double precision check (dish_c between -30 and 300);

-- +goose Down
alter table bake drop column shelf, drop column filling_c, drop column dish_c;
alter table card_version drop column shelf, drop column filling_c, drop column dish_c;
drop index oven_name;
alter table oven drop column kind, drop column offset_c, drop column give_or_take_c, drop column dial, drop column runners,
    drop column bottom_heat, drop column diameter_cm, drop column gone, add unique (kitchen_id, name);
alter table kitchen drop column altitude_m;
