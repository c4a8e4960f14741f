-- What was handed in and what was issued never change; how far a check is stands beside them.
create table checks (
  submission_id uuid primary key references submissions on delete cascade,
  state text not null default 'queued' check (state in ('queued', 'checking', 'checked', 'failed', 'replaced')),
  progress text not null default '',
  trouble text,
  -- the newest report and what it came to, so that lists need not open reports
  report_id uuid references reports on delete cascade,
  points double precision,
  out_of double precision,
  queued_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);
insert into checks (submission_id, state, progress, trouble, report_id, points, out_of, queued_at)
select s.id, s.state, s.progress, s.trouble, r.id, (r.grade->>'points')::float, (r.grade->>'of')::float, s.handed_in_at
from submissions s left join lateral (
  select id, grade from reports where submission_id = s.id order by created_at desc limit 1
) r on true;
-- a run writes one report, however often it is tried
alter table reports add column run text unique;
create index on checks (state, queued_at) where state <> 'checked';
alter table submissions drop column state, drop column progress, drop column trouble;
alter table submissions
  -- made by the browser: the same hand-in sent twice is one submission
  add column hand_in_id uuid unique,
  -- the version of the work that was handed in
  add column work_version int,
  -- how late it was by the rules of that moment, seconds; 0 is in time
  add column late_seconds int not null default 0;

-- Everything a student has made on a handout, beside what stands on their Bench.
alter table works
  add column variant text not null default 'First way',
  add column changed_by text,
  -- the last few saves by their own ids, so that one sent again is answered with what it made
  add column saves jsonb not null default '[]',
  -- what the Bench showed of it last
  add column picture text,
  add column numbers jsonb,
  add column spell_began_at timestamptz not null default now();
-- documents are written far oftener than read, and never searched: as they came, and quickly pressed
alter table works alter column document type json, alter column document set compression lz4;
create table work_variants (
  handout_id uuid not null,
  person_id uuid not null,
  name text not null,
  document json not null,
  changed_at timestamptz not null default now(),
  primary key (handout_id, person_id, name),
  foreign key (handout_id, person_id) references works on delete cascade
);
create table work_versions (
  id uuid primary key default gen_random_uuid(),
  handout_id uuid not null,
  person_id uuid not null,
  variant text not null,
  version int not null,
  kind text not null check (kind in ('spell', 'named', 'handed-in', 'parted', 'before')),
  name text,
  document json not null,
  -- what the Bench showed: a small picture, and numbers of the part
  picture text,
  numbers jsonb,
  save_id uuid unique,
  made_at timestamptz not null default now(),
  foreign key (handout_id, person_id) references works on delete cascade
);
create index on work_versions (handout_id, person_id, made_at desc);

alter table exercises add column saves jsonb not null default '[]';

-- A course lives in a time zone; a handout says what happens after it was due.
alter table courses add column time_zone text not null default 'Europe/London';
alter table handouts
  add column grace_minutes int not null default 0 check (grace_minutes between 0 and 10080),
  add column after_due text not null default 'late' check (after_due in ('refuse', 'late', 'points')),
  add column points_a_day double precision not null default 0 check (points_a_day between 0 and 1000);
create table extensions (
  handout_id uuid not null references handouts on delete cascade,
  person_id uuid not null references people on delete cascade,
  due_at timestamptz not null,
  primary key (handout_id, person_id)
);

create index on handouts (course_id, due_at);
create index on exercises (course_id);
create index on enrolments (person_id);
create index on sessions (person_id);
create index on sessions (expires_at);
create index on submissions (person_id);
create index on works (person_id);
create index on handouts (exercise_id);

-- One documented way to take anything away: `select allow_deleting()` in the transaction that deletes a person or a
-- course (docs/running.md).
create function allow_deleting() returns void language sql as $$
  select set_config('caliper.deleting', 'on', true)
$$;
drop trigger reports_stay on reports;
drop function refuse_change;
create function stays() returns trigger language plpgsql as $$
begin
  if tg_op in ('DELETE') and current_setting('caliper.deleting', true) = 'on' then return old; end if;
  raise exception '% are never changed', tg_table_name using errcode = 'integrity_constraint_violation';
end $$;
create trigger stays before update or delete on reports for each row execute function stays();
create trigger stays before update or delete on submissions for each row execute function stays();
create trigger stays_whole before truncate on reports for each statement execute function stays();
create trigger stays_whole before truncate on submissions for each statement execute function stays();
create trigger stays_whole before truncate on handouts for each statement execute function stays();
create trigger stays_away before delete on handouts for each row execute function stays();
create trigger stays before update of exercise_id, course_id, exercise, revision, sheet, created_at on handouts
  for each row execute function stays();

-- whoever looks after the server
alter table people add column administrator boolean not null default false;

-- Pages listen instead of asking: a word on what has changed, never what it is now.
create function tell(topic text) returns void language sql as $$ select pg_notify('caliper', topic) $$;
create function tell_check() returns trigger language plpgsql as $$
declare handout uuid;
begin
  select handout_id into handout from submissions where id = new.submission_id;
  perform tell('submission:' || new.submission_id);
  perform tell('class:' || handout);
  return null;
end $$;
create trigger tells after insert or update on checks for each row execute function tell_check();
create function tell_work() returns trigger language plpgsql as $$
begin
  perform tell(concat_ws(':', 'work', new.handout_id, new.person_id, new.version, coalesce(new.changed_by, '')));
  return null;
end $$;
-- a window that saves on has told the others already: telling takes a lock that commits wait for
create trigger tells after update of version on works for each row
  when (old.changed_by is distinct from new.changed_by) execute function tell_work();
create function tell_exercise() returns trigger language plpgsql as $$
begin
  perform tell('exercise:' || new.id);
  return null;
end $$;
create trigger tells after update on exercises for each row execute function tell_exercise();
create function tell_handout() returns trigger language plpgsql as $$
begin
  perform tell('handout:' || new.id);
  return null;
end $$;
create trigger tells after update on handouts for each row execute function tell_handout();

-- Tries at the door, by account and by address (the table rate-limiter-flexible writes).
create table door_tries (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);
