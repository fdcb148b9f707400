alter table job add column archived boolean default false not null;

create table job_limits (
  job_id bigint not null references job (id) on delete cascade,
  kind varchar(20) not null,
  json clob not null,
  primary key (job_id, kind)
);

alter table run add column kind varchar(40) default 'spectrum' not null;
alter table run add column version int default 1 not null;
alter table run add column words_json clob default '[]' not null;
alter table run add column work_json clob;
alter table run add column outcome_json clob default '{}' not null;
alter table run add column headline varchar(100) default '' not null;
alter table run add column unit varchar(20) default '' not null;
alter table run add column picture_json clob default '[]' not null;
create index run_of_job on run (job_id, id);

create table run_array (
  run_id bigint not null references run (id) on delete cascade,
  name varchar(200) not null,
  type varchar(3) not null,
  points int not null,
  crc32 bigint not null,
  deflated blob not null,
  primary key (run_id, name)
);

alter table setup add column kind varchar(40) default 'spectrum' not null;
alter table setup add constraint setup_name unique (job_id, kind, name);
