-- +goose Up
-- What was learnt last from a log, with how sure it is: other bakes are foreseen with it. It can be learnt anew, and is
-- in no archive.
alter table learning alter column says set default '{"off": [], "left_out": [], "changed": []}';
alter table learning add column posterior jsonb;
alter table learning add column times integer not null default 0;

-- What is foreseen of a dessert in the oven.
alter table watch add column foreseen jsonb;

-- +goose Down
alter table watch drop column foreseen;
alter table learning drop column times;
alter table learning drop column posterior;
alter table learning alter column says drop default;
