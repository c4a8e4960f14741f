-- Whom a handout is for, and when: it opens, is due, and closes.
alter table handouts
  add column opens_at timestamptz,
  add column closes_at timestamptz check (closes_at >= due_at),
  -- false: for those of handout_audience alone
  add column for_all boolean not null default true,
  add column withdrawn_at timestamptz,
  -- kinds of steps that the Bench offers; none: all
  add column may_use text[],
  -- the Sheet of what it is marked by, where a corrected revision was given out
  add column marking_sheet jsonb,
  add column marking_drawing jsonb;
create table handout_audience (
  handout_id uuid not null references handouts on delete cascade,
  group_id uuid references groups on delete cascade,
  person_id uuid references people on delete cascade,
  check ((group_id is null) <> (person_id is null))
);
create unique index on handout_audience (handout_id, group_id) where group_id is not null;
create unique index on handout_audience (handout_id, person_id) where person_id is not null;
create index on handout_audience (group_id);
create index on handout_audience (person_id);
-- whether a handout is for somebody, by their group in its course
create function is_for(handout uuid, for_all boolean, person uuid, in_group uuid) returns boolean
  language sql stable as $$
  select for_all or exists (
    select 1 from handout_audience a
    where a.handout_id = handout and (a.person_id = person or a.group_id = in_group)
  )
$$;

-- Own numbers: each student's part, with what was measured on it and its Sheet.
create table own_parts (
  handout_id uuid not null references handouts on delete cascade,
  person_id uuid not null references people on delete cascade,
  -- in the row of all different parts: nobody else has it
  place int not null,
  numbers jsonb not null,
  -- of the exercise it was measured by
  revision int,
  sheet jsonb,
  drawing jsonb,
  -- volume, area, mass, and what its printed sizes measure
  targets jsonb,
  state text not null default 'making' check (state in ('making', 'ready', 'trouble')),
  trouble text,
  changed_at timestamptz not null default now(),
  primary key (handout_id, person_id),
  unique (handout_id, place)
);
create index on own_parts (person_id);
create function tell_own_part() returns trigger language plpgsql as $$
begin
  perform tell('handout:' || new.handout_id);
  return null;
end $$;
create trigger tells after update of state on own_parts for each row
  when (old.state is distinct from new.state) execute function tell_own_part();
-- the terms an exercise was issued with last, but for dates and whom it was for
alter table exercises add column terms jsonb;
-- what a second check with corrected exercise gives out with it
alter table rechecks
  add column gives_sheet boolean not null default false,
  add column sheet jsonb,
  add column drawing jsonb;

-- What stays of people and courses that were taken away: what was reached, without whose it was.
create table grades_kept (
  id bigserial primary key,
  course text not null,
  term text not null,
  handout text not null,
  points double precision,
  out_of double precision,
  -- the month is enough to count by
  handed_in_month date not null
);
-- whoever leaves the server leaves no name in what they decided either
create or replace function stays() returns trigger language plpgsql as $$
begin
  if current_setting('caliper.deleting', true) = 'on' then
    if tg_op = 'DELETE' then return old; end if;
    if tg_op = 'UPDATE' and tg_table_name = 'entries' then return new; end if;
  end if;
  raise exception '% are never changed', tg_table_name using errcode = 'integrity_constraint_violation';
end $$;

-- Exercises over time: what each was before it was changed, a spell of changes as one.
alter table exercises
  add column changed_by text,
  add column changed_at timestamptz not null default now();
create table exercise_revisions (
  exercise_id uuid not null references exercises on delete cascade,
  version int not null,
  document jsonb not null,
  by_name text,
  made_at timestamptz not null,
  primary key (exercise_id, version)
);
create function keep_revision() returns trigger language plpgsql as $$
begin
  if old.document = new.document then return new; end if;
  -- what was given out stays in the history, and else the end of each spell of changes
  if exists (select 1 from handouts h where h.exercise_id = old.id and h.revision = old.version)
    or old.changed_at < now() - interval '10 minutes'
    or old.changed_by is distinct from new.changed_by
    or not exists (select 1 from exercise_revisions r where r.exercise_id = old.id)
  then
    insert into exercise_revisions (exercise_id, version, document, by_name, made_at)
    values (old.id, old.version, old.document, old.changed_by, old.changed_at) on conflict do nothing;
  end if;
  new.changed_at := now();
  return new;
end $$;
create trigger keeps_revision before update of document on exercises for each row execute function keep_revision();
create index on exercises ((document->>'number'));
