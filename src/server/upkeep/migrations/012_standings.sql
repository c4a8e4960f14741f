-- Of all who have tried a handout: how many tries, the newest, and the one that counts by the handout's rule. It follows
-- from `tries`, is written by one function only, and stands ready so that no list looks through all tries of a course.
create table standings (
  handout_id uuid references handouts on delete cascade,
  person_id uuid references people on delete cascade,
  tries int not null,
  newest uuid not null references submissions on delete cascade,
  counting uuid not null references submissions on delete cascade,
  primary key (handout_id, person_id)
);
create index on standings (person_id);
create index on standings (newest);
create index on standings (counting);

-- What stands for some tries: a try that a later one took the place of counts only where there is no other; then the
-- points where the best counts, then the later.
create function standings_of(handout uuid, person uuid) returns setof standings language sql stable as $$
  select s.handout_id, s.person_id, count(*)::int,
    (array_agg(s.id order by s.attempt desc))[1],
    (array_agg(s.id order by r.state = 'replaced',
      case when h.counts = 'best' then coalesce(t.points, -1) else 0 end desc, s.attempt desc))[1]
  from submissions s join handouts h on h.id = s.handout_id
  join tries t on t.submission_id = s.id join runs r on r.id = t.run_id
  where s.handout_id = handout and s.person_id = person
  group by s.handout_id, s.person_id
$$;

-- Works out anew how somebody stands on a handout. The row is locked before anything is read: of two at once the second
-- sees what the first did.
create function stand_anew(handout uuid, person uuid) returns void language plpgsql as $$
begin
  perform 1 from standings where handout_id = handout and person_id = person for update;
  if found then
    update standings o set tries = n.tries, newest = n.newest, counting = n.counting
    from standings_of(handout, person) n
    where o.handout_id = handout and o.person_id = person
      and (o.tries, o.newest, o.counting) is distinct from (n.tries, n.newest, n.counting);
  else
    insert into standings select * from standings_of(handout, person)
    on conflict (handout_id, person_id) do nothing;
    -- somebody else made it meanwhile, without this try
    if not found then
      perform 1 from standings where handout_id = handout and person_id = person for update;
      update standings o set tries = n.tries, newest = n.newest, counting = n.counting
      from standings_of(handout, person) n where o.handout_id = handout and o.person_id = person;
    end if;
  end if;
end $$;

create function stands_by_try() returns trigger language plpgsql as $$
begin
  perform stand_anew(s.handout_id, s.person_id) from submissions s where s.id = new.submission_id;
  return null;
end $$;
create trigger stands after insert on tries for each row execute function stands_by_try();
create trigger stands_anew after update of points, run_id on tries for each row
  when ((old.points, old.run_id) is distinct from (new.points, new.run_id)) execute function stands_by_try();

create function stands_by_run() returns trigger language plpgsql as $$
begin
  perform stand_anew(s.handout_id, s.person_id) from submissions s join tries t on t.submission_id = s.id
  where s.id = new.submission_id and t.run_id = new.id;
  return null;
end $$;
create trigger stands_anew after update of state on runs for each row
  when (new.kind = 'check' and (old.state = 'replaced') <> (new.state = 'replaced')) execute function stands_by_run();

create function stands_by_rule() returns trigger language plpgsql as $$
begin
  perform stand_anew(handout_id, person_id)
  from (select handout_id, person_id from standings where handout_id = new.id order by person_id for update) o;
  return null;
end $$;
create trigger stands_anew after update of counts on handouts for each row
  when (old.counts <> new.counts) execute function stands_by_rule();

-- Where single tries are taken away, and not their handout or their student
create function stands_by_removal() returns trigger language plpgsql as $$
begin
  perform stand_anew(h.id, p.id) from handouts h, people p where h.id = old.handout_id and p.id = old.person_id;
  return null;
end $$;
create trigger stands_anew after delete on submissions for each row execute function stands_by_removal();

drop view may_count;
drop view counting_tries;
drop function counting_try;
drop view tried;
insert into standings
select n.* from (select distinct handout_id, person_id from submissions) s,
  standings_of(s.handout_id, s.person_id) n;

-- The same for everybody who is in the course and whom the handout is for: what lists read.
create view counting_tries as
select h.course_id, h.id as handout_id, e.person_id, e.group_id, n.newest, n.counting, coalesce(n.tries, 0) as tries
from handouts h
join enrolments e on e.course_id = h.course_id and e.role = 'student' and e.left_at is null
  and is_for(h.id, h.for_all, e.person_id, e.group_id)
left join standings n on n.handout_id = h.id and n.person_id = e.person_id;

-- Every try that may come to count: the newest, and where the best counts all that were not taken the place of.
create view may_count as
select s.handout_id, s.person_id, s.id as submission_id, s.attempt
from submissions s join handouts h on h.id = s.handout_id
join tries t on t.submission_id = s.id join runs r on r.id = t.run_id
join standings n on n.handout_id = s.handout_id and n.person_id = s.person_id
join enrolments e on e.course_id = h.course_id and e.person_id = s.person_id and e.role = 'student'
  and e.left_at is null and is_for(h.id, h.for_all, e.person_id, e.group_id)
where case when h.counts = 'best' then r.state <> 'replaced' else s.id = n.newest end;
