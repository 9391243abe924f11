-- +goose Up
-- What a log teaches is learnt in the background and read from here: the findings, how often the log or what it is read
-- with has changed, and of which of these changes the findings are.
alter table learning
    add column findings  jsonb,
    add column changes   bigint not null default 0,
    add column learnt_of bigint not null default -1;

-- +goose Down
alter table learning drop column findings, drop column changes, drop column learnt_of;
