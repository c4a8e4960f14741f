-- Parts as line drawings for lists, by what is in them.
create table line_pictures (
  hash text primary key,
  svg text not null check (length(svg) <= 40000),
  made_at timestamptz not null default now()
);
-- Of a checked part: as it is, and with what is missing and extra. Null: it looks like the reference; empty: not drawn.
alter table reports add column plain text default '', add column hatched text default '';
alter table trials add column plain text default '', add column hatched text default '';
alter table reports alter column plain drop default, alter column hatched drop default;
alter table trials alter column plain drop default, alter column hatched drop default;
-- Of the reference: as it was measured last, as it was in a revision, as it was given out.
alter table exercises add column pictured text;
alter table exercise_revisions add column pictured text;
alter table handouts add column pictured text;
create index on line_pictures (made_at);

create or replace function keep_revision() returns trigger language plpgsql as $$
begin
  if old.document = new.document then return new; end if;
  -- what was given out stays in the history, and else the end of each spell of changes
  if exists (select 1 from handouts h where h.exercise_id = old.id and h.revision = old.version)
    or old.changed_at < now() - interval '10 minutes'
    or old.changed_by is distinct from new.changed_by
    or not exists (select 1 from exercise_revisions r where r.exercise_id = old.id)
  then
    insert into exercise_revisions (exercise_id, version, document, changed_by, made_at, pictured)
    values (old.id, old.version, old.document, old.changed_by, old.changed_at, old.pictured) on conflict do nothing;
  end if;
  new.changed_at := now();
  return new;
end $$;
