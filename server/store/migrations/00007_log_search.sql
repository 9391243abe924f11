-- +goose Up
-- Words in the log are found by their letters in threes, also in the middle of a word.
create extension if not exists pg_trgm;
create index bake_words on bake using gin ((title || ' ' || note) gin_trgm_ops);

-- +goose Down
drop index bake_words;
