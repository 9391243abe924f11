-- +goose Up
-- What a kitchen reads: British or American words, a decimal point or a comma.
alter table kitchen
    add column english text not null default 'uk' check (english in ('uk', 'us')),
    add column decimal text not null default 'point' check (decimal in ('point', 'comma'));

-- +goose Down
alter table kitchen drop column decimal, drop column english;
