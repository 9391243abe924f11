-- +goose Up
-- "butter" was a good coat for its taste, and is a film now: what was kept stays what it was.
alter table card_version disable trigger card_version_kept;
alter table bake disable trigger bake_inputs_kept;
alter table watch disable trigger watch_inputs_kept;
update card_version set request = jsonb_set(request, '{greasing}', '"butter_coat"') where request ->> 'greasing' = 'butter';
update bake set request = jsonb_set(request, '{greasing}', '"butter_coat"') where request ->> 'greasing' = 'butter';
update watch set question = jsonb_set(question, '{request,greasing}', '"butter_coat"')
    where question #>> '{request,greasing}' = 'butter';
alter table card_version enable trigger card_version_kept;
alter table bake enable trigger bake_inputs_kept;
alter table watch enable trigger watch_inputs_kept;

-- +goose Down
alter table card_version disable trigger card_version_kept;
alter table bake disable trigger bake_inputs_kept;
alter table watch disable trigger watch_inputs_kept;
update card_version set request = jsonb_set(request, '{greasing}', '"butter"') where request ->> 'greasing' = 'butter_coat';
update bake set request = jsonb_set(request, '{greasing}', '"butter"') where request ->> 'greasing' = 'butter_coat';
update watch set question = jsonb_set(question, '{request,greasing}', '"butter"')
    where question #>> '{request,greasing}' = 'butter_coat';
alter table card_version enable trigger card_version_kept;
alter table bake enable trigger bake_inputs_kept;
alter table watch enable trigger watch_inputs_kept;
