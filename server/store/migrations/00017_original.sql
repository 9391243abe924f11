-- +goose Up
-- How a recipe that came in was made and how far it went, in its writer's own words.
alter table card_version add column original jsonb check (jsonb_typeof(original) = 'object');
drop trigger card_version_kept on card_version;
create trigger card_version_kept before update of id, kitchen_id, card_id, number, request, oven_id, oven_c, minutes, shelf, filling_c, dish_c, stages, note, saved_at, original
    on card_version for each row execute function keep_saved();

-- +goose Down
drop trigger card_version_kept on card_version;
create trigger card_version_kept before update of id, kitchen_id, card_id, number, request, oven_id, oven_c, minutes, shelf, filling_c, dish_c, stages, note, saved_at
    on card_version for each row execute function keep_saved();
alter table card_version drop column original;
