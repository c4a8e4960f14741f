-- how many of a handout's hints a student has opened, while at work and as it was handed in
alter table works add column hints_opened integer not null default 0;
alter table submissions add column hints_opened integer not null default 0;
