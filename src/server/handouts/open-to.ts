/** Whether somebody of role e sees handout h: students once it is open, where it is for them and not taken back. */
export const IS_OPEN_TO = `(e.role <> 'student' or (h.withdrawn_at is null
  and (h.opens_at is null or h.opens_at <= now()) and is_for(h.id, h.for_all, e.person_id, e.group_id)))`;
