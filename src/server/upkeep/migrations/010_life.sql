-- Every run of the machine is a row: what it does, of what, by which revision, and how it stands. Nobody writes a state
-- beside it.
create table runs (
  id uuid primary key default gen_random_uuid(),
  kind text not null check (kind in ('check', 'practice', 'second-check', 'own-part', 'measure', 'mistakes')),
  -- what it is of
  submission_id uuid references submissions on delete cascade,
  practice_id uuid references practices on delete cascade,
  recheck_id uuid references rechecks on delete cascade,
  handout_id uuid references handouts on delete cascade,
  person_id uuid references people on delete cascade,
  exercise_id uuid references exercises on delete cascade,
  -- the exercise as it was when it was begun last
  revision int not null default 0,
  state text not null default 'queued' check (state in ('queued', 'running', 'done', 'failed', 'replaced')),
  -- how often it was begun: only who began it last may end it
  turn int not null default 0,
  progress text not null default '',
  trouble text,
  -- the key of its job
  job text not null,
  queued_at timestamptz not null default now(),
  started_at timestamptz,
  ended_at timestamptz,
  changed_at timestamptz not null default now()
);
-- at most one is open of each thing
create unique index on runs (submission_id) where kind = 'check' and state in ('queued', 'running');
create unique index on runs (practice_id) where state in ('queued', 'running');
create unique index on runs (recheck_id, submission_id) where kind = 'second-check' and state in ('queued', 'running');
create unique index on runs (handout_id, person_id) where kind = 'own-part' and state in ('queued', 'running');
create unique index on runs (exercise_id, kind) where state in ('queued', 'running');
create index on runs (id) where state = 'replaced';
create index on runs (submission_id);
create index on runs (practice_id);
create index on runs (recheck_id);
create index on runs (handout_id, person_id);
create index on runs (person_id);
create index on runs (exercise_id);
create index on runs (state, queued_at) where state in ('queued', 'running', 'failed');

-- A try: its current run and report, and what follows from them. How it stands is read in the view that has the name
-- of old.
alter table checks rename to tries;
alter table tries add column run_id uuid references runs;
insert into runs (kind, submission_id, state, progress, trouble, job, queued_at, ended_at, changed_at)
select 'check', submission_id,
  case state when 'checking' then 'running' when 'checked' then 'done' else state end, progress, trouble,
  'check:' || submission_id, queued_at, case when state in ('queued', 'checking') then null else changed_at end, changed_at
from tries;
update tries t set run_id = r.id from runs r where r.submission_id = t.submission_id;
alter table tries alter column run_id set not null, drop column state, drop column progress, drop column trouble,
  drop column queued_at;
create index on tries (run_id);
create view checks as
select t.*, case r.state when 'running' then 'checking' when 'done' then 'checked' else r.state end as state,
  r.progress, r.trouble, r.queued_at, r.started_at, r.revision, r.changed_at as said_at
from tries t join runs r on r.id = t.run_id;

create trigger tells after update on runs for each row when (new.kind = 'check') execute function tell_check();

-- practices and own parts stand as their runs do
insert into runs (kind, practice_id, state, progress, trouble, job, queued_at, changed_at)
select 'practice', id, case state when 'checking' then 'running' when 'checked' then 'done' else state end, progress,
  trouble, 'practise:' || id, made_at, made_at
from practices;
alter table practices drop column state, drop column progress, drop column trouble;

drop trigger tells on own_parts;
alter table own_parts rename to own_numbers;
alter table own_numbers add column run_id uuid references runs;
insert into runs (kind, handout_id, person_id, state, trouble, job, changed_at)
select 'own-part', handout_id, person_id, case state when 'making' then 'queued' when 'ready' then 'done' else 'failed' end,
  trouble, 'own-part:' || handout_id || ':' || person_id, changed_at
from own_numbers;
update own_numbers o set run_id = r.id from runs r
where r.kind = 'own-part' and r.handout_id = o.handout_id and r.person_id = o.person_id;
alter table own_numbers drop column state, drop column trouble;
create view own_parts as
select o.*, case r.state when 'done' then 'ready' when 'failed' then 'trouble' else 'making' end as state, r.trouble
from own_numbers o join runs r on r.id = o.run_id;
create trigger tells_own after update of state on runs for each row
  when (new.kind = 'own-part' and old.state is distinct from new.state) execute function tell_own_part();

-- what somebody was given back says of which report it was
alter table returned add column report_id uuid references reports on delete cascade;

-- Of all who have tried a handout: the newest try, and the one that counts by the handout's rule. A try that a later
-- one took the place of counts only where there is no other.
create view tried as
select g.course_id, g.handout_id, g.person_id, g.tries, n.id as newest, k.id as counting
from (
  select h.course_id, s.handout_id, s.person_id, count(*)::int as tries, max(s.attempt) as newest,
    -- the largest of: not given way, points where the best counts, attempt
    (max(array[case when r.id is null then 1 else 0 end,
      case when h.counts = 'best' then coalesce(t.points, -1) else 0 end, s.attempt]::float8[]))[3]::int as counting
  from submissions s join handouts h on h.id = s.handout_id
  join tries t on t.submission_id = s.id left join runs r on r.id = t.run_id and r.state = 'replaced'
  group by h.course_id, s.handout_id, s.person_id
) g
join submissions n on n.handout_id = g.handout_id and n.person_id = g.person_id and n.attempt = g.newest
join submissions k on k.handout_id = g.handout_id and k.person_id = g.person_id and k.attempt = g.counting;
create function counting_try(handout uuid, person uuid) returns uuid language sql stable as $$
  select counting from tried where handout_id = handout and person_id = person
$$;
-- The same for everybody who is in the course and whom the handout is for: what lists read.
create view counting_tries as
select h.course_id, h.id as handout_id, e.person_id, e.group_id, n.newest, n.counting, coalesce(n.tries, 0) as tries
from handouts h
join enrolments e on e.course_id = h.course_id and e.role = 'student' and e.left_at is null
  and is_for(h.id, h.for_all, e.person_id, e.group_id)
left join tried n on n.course_id = h.course_id and n.handout_id = h.id and n.person_id = e.person_id;

-- Every try that may come to count: the newest, and where the best counts all that were not taken the place of.
create view may_count as
select s.handout_id, s.person_id, s.id as submission_id, s.attempt
from submissions s join handouts h on h.id = s.handout_id
join tries t on t.submission_id = s.id join runs r on r.id = t.run_id
join enrolments e on e.course_id = h.course_id and e.person_id = s.person_id and e.role = 'student'
  and e.left_at is null and is_for(h.id, h.for_all, e.person_id, e.group_id)
where case when h.counts = 'best' then r.state <> 'replaced'
  else not exists (select 1 from submissions l where l.handout_id = s.handout_id and l.person_id = s.person_id
    and l.attempt > s.attempt) end;

-- a handout is made once, however often its button is pressed
alter table handouts add column issue_id uuid unique;

-- a letter is tried again and again, with growing pauses; while one process sends it no other does
alter table outbox add column next_at timestamptz not null default now();
create index on outbox (next_at) where sent_at is null;
