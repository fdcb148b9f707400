create table setup (
  id bigint generated always as identity primary key,
  job_id bigint not null references job (id) on delete cascade,
  name varchar(200) not null,
  settings_json clob not null,
  unique (job_id, name)
);
