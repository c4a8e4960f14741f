/** Of submissions `s`: no later try of the same student on the same handout. */
export const IS_NEWEST = `not exists (select 1 from submissions l where l.handout_id = s.handout_id
  and l.person_id = s.person_id and l.attempt > s.attempt)`;
