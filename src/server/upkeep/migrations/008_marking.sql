-- How a handout is marked, and what its students see of it.
alter table handouts
  -- how many tries there are; none: as many as one likes
  add column attempts_most int check (attempts_most between 1 and 100),
  add column counts text not null default 'last' check (counts in ('last', 'best')),
  add column shows jsonb not null default '{"when": "checked", "points": true, "verdicts": true, "sentences": true,
    "numbers": true, "places": true, "targets": false}',
  -- checks before handing in; none: there are none
  add column practice jsonb,
  add column weight double precision not null default 1 check (weight between 0 and 1000),
  -- nothing is returned before everything was looked at
  add column hold_back boolean not null default false,
  -- what was measured on the reference when it was issued: volume, area, mass
  add column targets jsonb,
  -- what it is marked by since the last second check; none: as it was issued
  add column marking jsonb,
  add column marking_revision int;

-- What was decided about a submission, and what was said: written once, never changed.
create table entries (
  n bigserial primary key,
  -- made by the browser: the same entry sent twice is one
  id uuid not null unique,
  submission_id uuid not null references submissions on delete cascade,
  person_id uuid references people on delete set null,
  -- stays when the person goes
  by_name text not null,
  what jsonb not null,
  made_at timestamptz not null default clock_timestamp()
);
create index on entries (submission_id, n);
create index on entries (person_id);
create trigger stays before update of n, id, submission_id, by_name, what, made_at or delete on entries
  for each row execute function stays();
create trigger stays_whole before truncate on entries for each statement execute function stays();

-- What a student was given back, each time.
create table returned (
  id uuid primary key default gen_random_uuid(),
  submission_id uuid not null references submissions on delete cascade,
  mark jsonb not null,
  points double precision not null,
  out_of double precision not null,
  made_at timestamptz not null default clock_timestamp()
);
create index on returned (submission_id, made_at);
create trigger stays before update or delete on returned for each row execute function stays();
create trigger stays_whole before truncate on returned for each statement execute function stays();

-- What follows from report, decisions and rules, so that lists need not work it out.
alter table checks
  add column needs text[] not null default '{}',
  add column accepted_at timestamptz,
  add column returned_at timestamptz,
  -- whose turn it is in what is said
  add column turn text check (turn in ('student', 'instructor')),
  -- what the student sees of the points
  add column shown_points double precision,
  add column shown_of double precision;
update checks set shown_points = points, shown_of = out_of;
update checks set needs = '{failed}' where state = 'failed';

-- A second check with a changed exercise: tried first, applied when it was looked at.
create table rechecks (
  id uuid primary key default gen_random_uuid(),
  handout_id uuid not null references handouts on delete cascade,
  exercise jsonb not null,
  revision int not null,
  targets jsonb,
  why text not null default '',
  made_by uuid references people on delete set null,
  by_name text not null,
  made_at timestamptz not null default now(),
  state text not null default 'trying' check (state in ('trying', 'applied', 'dropped')),
  ended_at timestamptz
);
create index on rechecks (handout_id, made_at);
create unique index on rechecks (handout_id) where state = 'trying';
create table trials (
  recheck_id uuid not null references rechecks on delete cascade,
  submission_id uuid not null references submissions on delete cascade,
  report jsonb,
  grade jsonb,
  picture jsonb,
  trouble text,
  primary key (recheck_id, submission_id)
);
create index on trials (submission_id);
-- which second check a report belongs to
alter table reports add column recheck_id uuid references rechecks on delete cascade;

-- Checks before handing in.
create table practices (
  id uuid primary key,
  handout_id uuid not null references handouts on delete cascade,
  person_id uuid not null references people on delete cascade,
  document json not null,
  work_version int not null,
  state text not null default 'queued' check (state in ('queued', 'checking', 'checked', 'failed')),
  progress text not null default '',
  trouble text,
  grade jsonb,
  made_at timestamptz not null default now()
);
create index on practices (handout_id, person_id, made_at desc);
create index on practices (person_id);

-- What somebody wrote about lines like it: offered again.
create table remarks (
  person_id uuid not null references people on delete cascade,
  -- the kind of check, or '' for the whole
  about text not null,
  text text not null,
  uses int not null default 1,
  used_at timestamptz not null default now(),
  primary key (person_id, about, text)
);

-- Rubrics to start from, of a course.
create table rubrics (
  id uuid primary key default gen_random_uuid(),
  course_id uuid not null references courses on delete cascade,
  name text not null,
  rubric jsonb not null,
  made_at timestamptz not null default now(),
  unique (course_id, name)
);

-- A rubric tried on typical mistakes.
alter table exercises
  add column tried jsonb,
  add column tried_version int not null default 0,
  add column trying text not null default '';

-- During a lesson: what each Bench shows now, and what was looked at beside the student.
alter table works
  add column opened_at timestamptz not null default now(),
  -- time at work: pauses of more than five minutes are none of it
  add column worked_seconds double precision not null default 0,
  add column live_picture text,
  add column live_numbers jsonb,
  add column live_at timestamptz;
create table sign_offs (
  handout_id uuid not null references handouts on delete cascade,
  person_id uuid not null references people on delete cascade,
  by_name text not null,
  made_at timestamptz not null default now(),
  primary key (handout_id, person_id)
);
create index on sign_offs (person_id);
