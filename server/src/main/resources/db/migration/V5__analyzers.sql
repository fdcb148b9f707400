create table calibration (
  id bigint generated always as identity primary key,
  name varchar(200) not null,
  identity varchar(500) not null,
  method varchar(40) not null,
  kit varchar(200) not null,
  made_at_millis bigint not null,
  sweep_json clob not null,
  points int not null,
  verified double precision,
  crc32 bigint not null,
  terms_deflated blob not null
);

create table job_network (
  job_id bigint primary key references job (id) on delete cascade,
  settings_json clob not null
);

alter table run add column network_id bigint;
