-- Each thing of an exercise carries the version that changed it last: two who change different things are both kept.
alter table exercises add column stamps jsonb not null default '{}';
