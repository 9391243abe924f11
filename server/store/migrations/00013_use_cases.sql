-- +goose Up
-- An answer that is taken back brings back what it withdrew; what a list of cards is filtered by is worked out when a card is saved.
alter table watch_call add column withdrawn_by_id uuid;
alter table card_version add column summary jsonb check (jsonb_typeof(summary) = 'object');
drop trigger card_version_kept on card_version;
create trigger card_version_kept before update of id, kitchen_id, card_id, number, request, oven_id, oven_c, minutes, shelf, filling_c, dish_c, stages, note, saved_at
    on card_version for each row execute function keep_saved();

-- +goose Down
drop trigger card_version_kept on card_version;
create trigger card_version_kept before update on card_version for each row execute function keep_saved();
alter table card_version drop column summary;
alter table watch_call drop column withdrawn_by_id;
