create table network (
  id bigint generated always as identity primary key,
  name varchar(300) not null,
  ports int not null,
  points int not null,
  start_hz double precision not null,
  stop_hz double precision not null,
  version varchar(10) not null,
  comments clob not null,
  file_name varchar(100) not null,
  opened_at timestamp with time zone not null
);

alter table path_element add column network_id bigint references network (id);
