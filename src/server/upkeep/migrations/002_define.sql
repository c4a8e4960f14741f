-- whether the Bench may propose what a student's sketch still lacks
alter table handouts add column may_define boolean not null default true;
