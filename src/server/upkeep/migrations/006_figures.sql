-- what a handout takes: a part built here, a STEP file, a mesh file, typed figures alone
alter table handouts add column accepts text[] not null default '{part}';
update handouts set accepts = '{part,step}' where accepts_step;
alter table handouts drop column accepts_step;
alter table handouts add constraint accepts_known
  check (accepts <@ '{part,step,mesh,figures}'::text[] and cardinality(accepts) > 0);

-- just the figure: what was typed beside the part, or in its place
alter table submissions add column answers jsonb not null default '{}';

-- the Sheet before it is written as a file of some kind
alter table handouts add column drawing jsonb;

-- how far the measuring of a reference is, while it goes on
alter table exercises add column preparing text not null default '';
