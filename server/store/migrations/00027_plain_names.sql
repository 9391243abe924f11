-- +goose Up
alter table house rename to resources;
alter table resources rename column has to settings;
alter table pantry rename to stock;
alter table stock rename column has to content;
alter table on_the_way rename to countdown;
alter table countdown rename column asked to digest;
alter table day rename column asked to request;
alter table day rename column laid to schedule;
alter table day rename column laid_of to schedule_of;
alter table learning rename column says to preferences;
alter table watch rename column foreseen to forecast;
alter table watch_call rename column says to text;
alter table bake rename column told to details;
alter table bake rename column happened to actual;

-- plain_names renames the keys of stored JSON as the rules name them since form 5. lift.go does the same for archives.
-- +goose StatementBegin
create function pg_temp.plain_names(j jsonb) returns jsonb language plpgsql immutable strict as $$
declare
    out jsonb;
    k text;
    v jsonb;
    n text;
begin
    if jsonb_typeof(j) = 'array' then
        select coalesce(jsonb_agg(pg_temp.plain_names(x.e) order by x.i), '[]') into out
            from jsonb_array_elements(j) with ordinality as x(e, i);
        return out;
    elsif jsonb_typeof(j) <> 'object' or j ? 'text' and j ? 'values' then -- a message keeps the names of its values
        return j;
    end if;
    out := '{}';
    for k, v in select * from jsonb_each(j) loop
        n := case
            when k = 'says' and (j ? 'right' or j ? 'lanes') then 'summary'
            when k = 'says' then 'text'
            when k = 'what' and j ? 'level' then 'text'
            when k = 'why' and j ? 'level' then 'reason'
            when k = 'do' and j ? 'level' then 'action'
            when k = 'what' and j ? 'how' then 'name'
            when k = 'how' and j ? 'what' then 'text'
            when k = 'how' and j ? 'lines' then 'instructions'
            when k = 'why' and j ? 'running_g' then 'source'
            when k = 'why' and j ? 'order' then 'reason'
            when k = 'way' and j ? 'lane' then 'option'
            when k = 'other_way' then 'other_option'
            when k = 'beside' and j ? 'ticket' then 'served_with'
            when k = 'wanted_g' and j ? 'bowl' then 'planned_g'
            when k = 'look_from_min' then 'check_from_min'
            when k = 'unlaid' then 'unscheduled'
            when k = 'ways_out' then 'remedies'
            when k = 'ways' and (j ? 'orders') then 'remedies'
            when k = 'took' and j ? 'lanes' then 'actual_times'
            when k = 'took_min' then 'actual_min'
            when k = 'usual_days' then 'saved_days'
            when k = 'stock' and j ? 'packs' then 'items'
            else k
        end;
        out := out || jsonb_build_object(n, pg_temp.plain_names(v));
    end loop;
    return out;
end $$;
-- +goose StatementEnd

alter table bake disable trigger user;
alter table bake_correction disable trigger user;
alter table watch disable trigger user;
update bake set result = pg_temp.plain_names(result), actual = pg_temp.plain_names(actual);
update bake_correction set was = (was - 'told') || jsonb_build_object('details', was -> 'told') where was ? 'told';
update watch set answer = pg_temp.plain_names(answer), weighed = pg_temp.plain_names(weighed),
    estimate = pg_temp.plain_names(estimate), forecast = null;
update countdown set steps = pg_temp.plain_names(steps);
update day set request = pg_temp.plain_names(request), schedule = pg_temp.plain_names(schedule);
update resources set settings = pg_temp.plain_names(settings);
update stock set content = pg_temp.plain_names(content);
update card_version set summary = null;
update learning set findings = null, learnt_of = -1;
alter table bake enable trigger user;
alter table bake_correction enable trigger user;
alter table watch enable trigger user;

-- +goose Down
-- The JSON keeps its new keys: an older program reads them as left out.
alter table bake rename column actual to happened;
alter table bake rename column details to told;
alter table watch_call rename column text to says;
alter table watch rename column forecast to foreseen;
alter table learning rename column preferences to says;
alter table day rename column schedule_of to laid_of;
alter table day rename column schedule to laid;
alter table day rename column request to asked;
alter table countdown rename column digest to asked;
alter table countdown rename to on_the_way;
alter table stock rename column content to has;
alter table stock rename to pantry;
alter table resources rename column settings to has;
alter table resources rename to house;
