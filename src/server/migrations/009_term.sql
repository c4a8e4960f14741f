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
