-- +goose Up
-- The number of a batch, from which one finds what it was made of. Bakes logged before have none.
alter table bake add column batch text;
create unique index bake_batch on bake (kitchen_id, batch) where batch is not null;

-- +goose Down
alter table bake drop column batch;
