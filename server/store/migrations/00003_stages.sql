-- +goose Up
-- A bake in stages: covered, open, hotter, on the rack. Left out: one stage by temperature and minutes.
alter table card_version add column stages jsonb check (jsonb_typeof(stages) = 'array');
alter table bake add column stages jsonb check (jsonb_typeof(stages) = 'array');

-- +goose Down
alter table card_version drop column stages;
alter table bake drop column stages;
