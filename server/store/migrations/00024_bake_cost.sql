-- +goose Up
-- What a dessert cost by the prices of its day.
alter table bake add column cost jsonb;

-- +goose Down
alter table bake drop column cost;
