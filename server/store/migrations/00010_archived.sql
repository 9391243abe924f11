-- +goose Up
-- A card that is not baked any more is put away: the log and its versions stay.
alter table card add column archived boolean not null default false;
create index card_version_newest on card_version (card_id, number desc);

-- +goose Down
drop index card_version_newest;
alter table card drop column archived;
