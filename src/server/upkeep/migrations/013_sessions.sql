-- A session that ends is told, so that the streams it opened end with it. Told is its fingerprint, not its token.
create function tell_session() returns trigger language plpgsql as $$
begin
  perform tell('session:' || encode(old.token_hash, 'hex'));
  return null;
end $$;
create trigger tells after delete on sessions for each row execute function tell_session();
-- nobody is told that somebody is in a course any more: who listens for its sake is looked at again
create function tell_standing() returns trigger language plpgsql as $$
begin
  perform tell('standing:' || old.person_id);
  return null;
end $$;
create trigger tells_standing after update of left_at, role, group_id or delete on enrolments
  for each row execute function tell_standing();
