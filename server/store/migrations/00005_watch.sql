-- +goose Up
-- What is in the oven now, and what is called out while it is there. The server keeps the time: every tablet shows the same.

create table watch (
    id         uuid primary key,
    kitchen_id uuid not null references kitchen,
    title      text not null check (length(title) between 1 and 80),
    card_id    uuid,
    version    integer,
    oven_id    uuid,
    question   jsonb not null check (jsonb_typeof(question) = 'object'), -- the dessert and its setting, as it went in
    answer     jsonb not null check (jsonb_typeof(answer) = 'object'),   -- what was predicted then
    stages     jsonb not null check (jsonb_typeof(stages) = 'array'),    -- as they are by now
    started_at timestamptz not null,
    out_at     timestamptz,
    ended_at   timestamptz,
    probe      text not null default '' check (probe in ('', 'middle', 'air')), -- where it is
    estimate   jsonb check (jsonb_typeof(estimate) = 'object'),                  -- what it told last
    check ((card_id is null) = (version is null)),
    check (out_at is null or out_at >= started_at),
    unique (kitchen_id, id),
    foreign key (kitchen_id, card_id, version) references card_version (kitchen_id, card_id, number),
    foreign key (kitchen_id, oven_id) references oven (kitchen_id, id)
);
create index watch_now on watch (kitchen_id, started_at) where ended_at is null;
create trigger watch_inputs_kept before update of question, answer, started_at, card_id, version on watch for each row execute function keep_saved();

create table watch_call (
    id          uuid primary key,
    kitchen_id  uuid not null,
    watch_id    uuid not null,
    kind        text not null check (length(kind) between 1 and 20),
    due_at      timestamptz not null,
    says        text not null check (length(says) between 1 and 300),
    caution     text not null default '' check (length(caution) <= 600),
    state       text not null default 'waiting' check (state in ('waiting', 'done', 'skipped', 'withdrawn')),
    answered_at timestamptz,
    snoozes     integer not null default 0,
    check ((state in ('done', 'skipped')) = (answered_at is not null)),
    foreign key (kitchen_id, watch_id) references watch (kitchen_id, id) on delete cascade
);
create index watch_call_of on watch_call (watch_id, due_at);

-- What a probe read; thinned with age.
create table watch_reading (
    watch_id uuid not null references watch on delete cascade,
    minute   real not null,
    c        real not null check (c between -60 and 600),
    primary key (watch_id, minute)
);

-- +goose Down
drop table watch_reading, watch_call, watch;
