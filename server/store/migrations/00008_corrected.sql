-- +goose Up
-- What was told of a bake may be put right later, with what it said before; and a bake may have a picture.

create table picture (
    id         uuid primary key,
    kitchen_id uuid not null references kitchen,
    width      integer not null check (width between 1 and 4096),
    height     integer not null check (height between 1 and 4096),
    jpeg       bytea not null check (length(jpeg) between 1 and 8000000),
    small      bytea not null check (length(small) between 1 and 400000),
    added_at   timestamptz not null,
    unique (kitchen_id, id)
);
create trigger picture_kept before update on picture for each row execute function keep_saved();

alter table bake
    add column picture_id uuid,
    add unique (kitchen_id, id),
    add foreign key (kitchen_id, picture_id) references picture (kitchen_id, id);
create index bake_picture on bake (picture_id) where picture_id is not null;

create table bake_correction (
    id         uuid primary key,
    kitchen_id uuid not null,
    bake_id    uuid not null,
    picture_id uuid,
    at         timestamptz not null,
    was        jsonb not null check (jsonb_typeof(was) = 'object'), -- what was told until then
    foreign key (kitchen_id, bake_id) references bake (kitchen_id, id) on delete cascade,
    foreign key (kitchen_id, picture_id) references picture (kitchen_id, id)
);
create index bake_correction_of on bake_correction (bake_id, at);
create trigger bake_correction_kept before update on bake_correction for each row execute function keep_saved();

-- +goose Down
drop table bake_correction;
alter table bake drop column picture_id, drop constraint bake_kitchen_id_id_key;
drop table picture;
