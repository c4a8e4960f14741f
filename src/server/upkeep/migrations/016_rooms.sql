-- What somebody's histories fill is added up at every version that is kept.
create index on work_versions (person_id);
