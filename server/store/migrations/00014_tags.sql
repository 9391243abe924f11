-- +goose Up
-- The occasions that a card is for, in the kitchen's own words: picnic, Sunday, market.
alter table card add column tags text[] not null default '{}';
create index card_tags on card using gin (tags);

-- +goose Down
drop index card_tags;
alter table card drop column tags;
