-- Wearers are found by the beginning of any part of a name, by a mistyped name, and by number; each by an index.

create extension if not exists pg_trgm schema public;
create extension if not exists unaccent schema public;
create extension if not exists btree_gin schema public;

-- A name as it is looked for: without accents, case and punctuation, a blank before every part.
create function plain_name(name text) returns text language sql immutable strict parallel safe as $$
  select ' ' || trim(regexp_replace(lower(public.unaccent('public.unaccent', $1 collate "default")), '[^[:alnum:]]+', ' ', 'g'))
$$;

alter table wearer_identity add column plain text collate "C" generated always as (plain_name(name)) stored;
-- The names that begin so, in order.
create index wearer_identity_plain on wearer_identity (practice_id, plain, wearer_id);
-- Any part of a name that begins so, and names that are like it.
create index wearer_identity_parts on wearer_identity using gin (practice_id, plain gin_trgm_ops);
-- The whole list, page by page.
drop index wearer_identity_name;
create index wearer_identity_name on wearer_identity (practice_id, name, wearer_id);
