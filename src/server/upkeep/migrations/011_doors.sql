-- Whether somebody has shown that an address is theirs: they answered a letter to it. Who was here before is believed
-- where they came in by a letter, or look after the server.
alter table people add column proved_at timestamptz;
update people p set proved_at = now()
where demo or administrator or password_hash is null
  or exists (select 1 from keys k where k.person_id = p.id and k.used_at is not null);
-- a role that was given to an address waits until the address is proved
alter table enrolments add column promised boolean not null default false check (not promised or left_at is not null);
