create table people (
  id uuid primary key default gen_random_uuid(),
  email text not null unique,
  name text not null,
  password_hash text not null,
  demo boolean not null default false
);
create table sessions (
  token_hash bytea primary key,
  person_id uuid not null references people on delete cascade,
  expires_at timestamptz not null
);
create table courses (
  id uuid primary key default gen_random_uuid(),
  title text not null
);
create table enrolments (
  course_id uuid not null references courses on delete cascade,
  person_id uuid not null references people on delete cascade,
  role text not null check (role in ('instructor', 'student')),
  primary key (course_id, person_id)
);
create table exercises (
  id uuid primary key default gen_random_uuid(),
  course_id uuid not null references courses on delete cascade,
  document jsonb not null,
  version int not null default 1,
  -- what the worker measured on the reference of this version
  prepared jsonb,
  prepared_version int not null default 0,
  created_at timestamptz not null default now()
);
create table handouts (
  id uuid primary key default gen_random_uuid(),
  exercise_id uuid not null references exercises on delete cascade,
  course_id uuid not null references courses on delete cascade,
  -- frozen when issued
  exercise jsonb not null,
  revision int not null,
  sheet jsonb,
  trouble text,
  due_at timestamptz not null,
  created_at timestamptz not null default now()
);
create table works (
  handout_id uuid not null references handouts on delete cascade,
  person_id uuid not null references people on delete cascade,
  document jsonb not null,
  version int not null default 1,
  changed_at timestamptz not null default now(),
  primary key (handout_id, person_id)
);
create table submissions (
  id uuid primary key default gen_random_uuid(),
  handout_id uuid not null references handouts on delete cascade,
  person_id uuid not null references people on delete cascade,
  attempt int not null,
  document jsonb not null,
  state text not null default 'queued' check (state in ('queued', 'checking', 'checked', 'failed')),
  progress text not null default '',
  trouble text,
  handed_in_at timestamptz not null default now(),
  unique (handout_id, person_id, attempt)
);
-- reports are written once and never changed
create table reports (
  id uuid primary key default gen_random_uuid(),
  submission_id uuid not null references submissions on delete cascade,
  revision int not null,
  kernel text not null,
  report jsonb not null,
  grade jsonb not null,
  picture jsonb not null,
  created_at timestamptz not null default now()
);
create index on reports (submission_id, created_at);
create function refuse_change() returns trigger language plpgsql as $$
begin raise exception 'reports are never changed'; end $$;
create trigger reports_stay before update on reports for each row execute function refuse_change();
create table worker_heartbeats (
  worker_id text primary key,
  seen_at timestamptz not null default now()
);
