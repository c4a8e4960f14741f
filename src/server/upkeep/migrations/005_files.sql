-- a handout may take a STEP file in place of a part built here; it is kept where the document else is
alter table handouts add column accepts_step boolean not null default false;
