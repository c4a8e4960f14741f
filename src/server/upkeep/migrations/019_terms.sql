-- The terms an exercise is given out on belong to its document: changed, undone and merged as all else in it.
alter table exercises disable trigger user;
update exercises set document = document || jsonb_build_object('terms', jsonb_strip_nulls(terms))
where terms is not null;
alter table exercises enable trigger user;
alter table exercises drop column terms;
