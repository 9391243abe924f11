-- +goose Up
-- Every row belongs to a kitchen. Rows that point at others do so together with the kitchen, so that the database
-- itself refuses a card of one kitchen in the log of another.

create table kitchen (
    id         uuid primary key,
    name       text not null check (length(name) between 1 and 80),
    cup        text not null default 'metric' check (cup in ('us', 'metric', 'imperial')),
    spoon      text not null default 'metric' check (spoon in ('us', 'metric', 'australian')),
    created_at timestamptz not null default now()
);

create table dish (
    id              uuid primary key,
    kitchen_id      uuid not null references kitchen,
    name            text not null check (length(name) between 1 and 80),
    shape           text not null check (shape in ('rectangle', 'square', 'round', 'oval')),
    length_cm       double precision not null check (length_cm between 3 and 100),
    width_cm        double precision not null default 0 check (width_cm = 0 or width_cm between 3 and 100),
    depth_cm        double precision not null check (depth_cm between 1 and 20),
    floor_length_cm double precision not null default 0 check (floor_length_cm between 0 and length_cm),
    floor_width_cm  double precision not null default 0 check (floor_width_cm >= 0),
    measured_ml     double precision not null default 0 check (measured_ml between 0 and 100000),
    material        text not null check (length(material) between 1 and 40),
    created_at      timestamptz not null default now(),
    check (width_cm > 0 or shape in ('square', 'round')),
    check (floor_width_cm <= greatest(width_cm, length_cm)),
    unique (kitchen_id, id),
    unique (kitchen_id, name)
);

create table oven (
    id         uuid primary key,
    kitchen_id uuid not null references kitchen,
    name       text not null check (length(name) between 1 and 80),
    heating    text not null check (heating in ('conventional', 'fan')),
    created_at timestamptz not null default now(),
    unique (kitchen_id, id),
    unique (kitchen_id, name)
);

create table card (
    id         uuid primary key,
    kitchen_id uuid not null references kitchen,
    name       text not null check (length(name) between 1 and 80),
    created_at timestamptz not null default now(),
    unique (kitchen_id, id)
);

-- A saved version is never changed or taken away: see the trigger.
create table card_version (
    id         uuid primary key,
    kitchen_id uuid not null,
    card_id    uuid not null,
    number     integer not null check (number >= 1),
    request    jsonb not null check (jsonb_typeof(request) = 'object'),
    oven_id    uuid,
    oven_c     double precision check (oven_c between 50 and 350),
    minutes    double precision check (minutes between 1 and 720),
    note       text not null default '' check (length(note) <= 2000),
    saved_at   timestamptz not null,
    unique (card_id, number),
    unique (kitchen_id, card_id, number),
    foreign key (kitchen_id, card_id) references card (kitchen_id, id),
    foreign key (kitchen_id, oven_id) references oven (kitchen_id, id)
);

create table bake (
    id          uuid primary key,
    kitchen_id  uuid not null references kitchen,
    title       text not null check (length(title) between 1 and 80),
    baked_at    timestamptz not null,
    card_id     uuid,
    version     integer,
    request     jsonb not null check (jsonb_typeof(request) = 'object'),
    result      jsonb not null check (jsonb_typeof(result) = 'object'),
    oven_id     uuid,
    oven_c      double precision check (oven_c between 50 and 350),
    minutes     double precision check (minutes between 1 and 720),
    juice       text check (juice in ('runny', 'saucy', 'spoonable', 'mounds', 'slices', 'stodgy')),
    fruit       text check (fruit in ('hard', 'bite', 'tender', 'mush')),
    top         text check (top in ('pale', 'golden', 'dark', 'burnt')),
    boiled_over boolean,
    note        text not null default '' check (length(note) <= 2000),
    logged_at   timestamptz not null default now(),
    check ((card_id is null) = (version is null)),
    foreign key (kitchen_id, card_id, version) references card_version (kitchen_id, card_id, number),
    foreign key (kitchen_id, oven_id) references oven (kitchen_id, id)
);

create index bake_log on bake (kitchen_id, baked_at desc, id desc);

-- +goose StatementBegin
create function keep_saved() returns trigger language plpgsql as $$
begin
    raise exception 'a saved % is never changed: save a new one', tg_table_name using errcode = 'restrict_violation';
end $$;
-- +goose StatementEnd

create trigger card_version_kept before update on card_version for each row execute function keep_saved();
create trigger bake_inputs_kept before update of request, result, card_id, version, baked_at on bake for each row execute function keep_saved();

-- +goose Down
drop table bake, card_version, card, oven, dish, kitchen;
drop function keep_saved;
