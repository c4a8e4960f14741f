-- Who changed an exercise, or signed somebody off, is known by their id and never by a name that is kept: a name that is
-- changed changes everywhere, and of who was taken away none is left.
alter table exercises add column changed_by_id uuid;
alter table exercise_revisions add column by_id uuid;
alter table sign_offs add column made_by uuid;
-- names of old are those of people of the course
create function pg_temp.called(name text, course uuid) returns uuid language sql stable as $$
  select p.id from people p join enrolments e on e.person_id = p.id
  where p.name = $1 and e.course_id = $2 and e.role <> 'student' order by p.id limit 1
$$;
update exercises set changed_by_id = pg_temp.called(changed_by, course_id) where changed_by is not null;
update exercise_revisions r set by_id = pg_temp.called(r.by_name, x.course_id)
from exercises x where x.id = r.exercise_id and r.by_name is not null;
update sign_offs o set made_by = pg_temp.called(o.by_name, h.course_id) from handouts h where h.id = o.handout_id;
alter table exercises drop column changed_by;
alter table exercises rename column changed_by_id to changed_by;
alter table exercise_revisions drop column by_name;
alter table exercise_revisions rename column by_id to changed_by;
alter table sign_offs drop column by_name;

create or replace function keep_revision() returns trigger language plpgsql as $$
begin
  if old.document = new.document then return new; end if;
  -- what was given out stays in the history, and else the end of each spell of changes
  if exists (select 1 from handouts h where h.exercise_id = old.id and h.revision = old.version)
    or old.changed_at < now() - interval '10 minutes'
    or old.changed_by is distinct from new.changed_by
    or not exists (select 1 from exercise_revisions r where r.exercise_id = old.id)
  then
    insert into exercise_revisions (exercise_id, version, document, changed_by, made_at)
    values (old.id, old.version, old.document, old.changed_by, old.changed_at) on conflict do nothing;
  end if;
  new.changed_at := now();
  return new;
end $$;

-- What somebody is called; of who is not there any more, that they have left. Undefined for nobody.
create function name_of(person uuid) returns text language sql stable as $$
  select case when person is not null then
    coalesce((select name from people where id = person), 'somebody who has left') end
$$;
