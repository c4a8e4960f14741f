-- What points at a row that is taken away is looked for by these, row by row.
create index on extensions (person_id);
create index on rechecks (made_by);
create index on invitations (made_by);
create index on invitations (group_id);
create index on outbox (person_id);
create index on returned (report_id);
create index on tries (report_id);
create index on reports (recheck_id);
create index on own_numbers (run_id);
