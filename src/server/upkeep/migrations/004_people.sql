-- Real people: how they come into a course, what they may do there, how they get back in.
alter table people
  -- nobody has a password before they have chosen one
  alter column password_hash drop not null,
  add column initials text not null default '',
  add column created_at timestamptz not null default now();

update people set initials = upper(left(name, 1) || left(split_part(name, ' ', -1), 1));

alter table courses
  -- goes with the demo's people
  add column demo boolean not null default false,
  add column term text not null default '',
  add column created_at timestamptz not null default now(),
  -- what a class types to come in; none while the course is not open so
  add column code text unique;

update courses c set demo = true
  where exists (select 1 from enrolments e join people p on p.id = e.person_id and p.demo where e.course_id = c.id);

create table groups (
  id uuid primary key default gen_random_uuid(),
  course_id uuid not null references courses on delete cascade,
  name text not null,
  unique (course_id, name)
);

alter table enrolments
  drop constraint enrolments_role_check,
  add constraint enrolments_role_check check (role in ('instructor', 'assistant', 'student')),
  add column group_id uuid references groups on delete set null,
  add column joined_at timestamptz not null default now(),
  -- who leaves keeps their work, and has it again when they come back
  add column left_at timestamptz;
create index on enrolments (group_id);

create table invitations (
  id uuid primary key default gen_random_uuid(),
  course_id uuid not null references courses on delete cascade,
  role text not null check (role in ('instructor', 'assistant', 'student')),
  group_id uuid references groups on delete set null,
  token_hash bytea not null unique,
  made_by uuid references people on delete set null,
  made_at timestamptz not null default now(),
  expires_at timestamptz not null,
  most_uses int not null,
  uses int not null default 0,
  withdrawn_at timestamptz
);
create index on invitations (course_id);

-- a way back in, or a first way in: sent by mail, used once
create table keys (
  token_hash bytea primary key,
  person_id uuid not null references people on delete cascade,
  made_at timestamptz not null default now(),
  expires_at timestamptz not null,
  used_at timestamptz
);
create index on keys (person_id);

create table outbox (
  id uuid primary key default gen_random_uuid(),
  person_id uuid references people on delete cascade,
  address text not null,
  subject text not null,
  body text not null,
  made_at timestamptz not null default now(),
  sent_at timestamptz,
  tries int not null default 0,
  trouble text
);
create index on outbox (made_at desc);

alter table sessions
  add column id uuid not null default gen_random_uuid() unique,
  add column opened_at timestamptz not null default now(),
  add column agent text not null default '';
create index on sessions (person_id);
