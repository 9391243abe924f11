-- +goose Up
-- What a call says is kept with its values, so that a kitchen reads it in its own words and units: a text, or a text and its values.
alter table watch_call drop constraint watch_call_says_check, drop constraint watch_call_caution_check;
alter table watch_call alter column caution drop default;
alter table watch_call
    alter column says type jsonb using to_jsonb(says),
    alter column caution type jsonb using to_jsonb(caution);
alter table watch_call
    alter column caution set default '""',
    add constraint watch_call_says_check check (length(says::text) between 3 and 2000),
    add constraint watch_call_caution_check check (length(caution::text) <= 4000);

-- +goose Down
alter table watch_call drop constraint watch_call_says_check, drop constraint watch_call_caution_check;
alter table watch_call alter column caution drop default;
alter table watch_call
    alter column says type text using coalesce(says ->> 'text', says #>> '{}'),
    alter column caution type text using coalesce(caution ->> 'text', caution #>> '{}');
alter table watch_call
    alter column caution set default '',
    add constraint watch_call_says_check check (length(says) between 1 and 300),
    add constraint watch_call_caution_check check (length(caution) <= 600);
