create table job (
  id bigint generated always as identity primary key,
  name varchar(200) not null,
  created_at timestamp with time zone not null
);

create table dut (
  job_id bigint primary key references job (id) on delete cascade,
  name varchar(200) not null
);

create table limit_set (
  job_id bigint primary key references job (id) on delete cascade,
  nominal_hz double precision,
  frequency_tolerance_ppm double precision,
  nominal_level_dbm double precision,
  level_minus_db double precision,
  level_plus_db double precision
);

create table instrument (
  id bigint generated always as identity primary key,
  name varchar(200) not null,
  kind varchar(40) not null,
  host varchar(255) not null,
  port int not null,
  dialect varchar(100) not null,
  wanted boolean not null
);

create table path (
  job_id bigint primary key references job (id) on delete cascade,
  reading_plane int not null,
  revision bigint not null
);

create table path_element (
  job_id bigint not null references path (job_id) on delete cascade,
  position int not null,
  name varchar(200) not null,
  kind varchar(40) not null,
  gain_kind varchar(10) not null,
  gain_db double precision,
  gain_table clob,
  shift_hz double precision,
  tolerance_db double precision not null,
  highest_level_dbm double precision,
  damage_level_dbm double precision,
  dc_allowed boolean not null,
  return_loss_db double precision,
  output_level_dbm double precision,
  instrument_id bigint,
  primary key (job_id, position)
);

create table acquisition (
  id bigint generated always as identity primary key,
  name varchar(300) not null,
  origin varchar(20) not null,
  datatype varchar(20) not null,
  sample_rate_hz double precision not null,
  centre_hz double precision not null,
  full_scale_dbm double precision,
  samples bigint not null,
  overload boolean not null,
  description varchar(4000) not null,
  recorded_at varchar(40) not null,
  hardware varchar(400) not null,
  file_name varchar(100) not null,
  sha256 varchar(64) not null
);

create table run (
  id bigint generated always as identity primary key,
  job_id bigint not null references job (id),
  acquisition_id bigint references acquisition (id),
  name varchar(200) not null,
  kept_at timestamp with time zone not null,
  settings_json clob not null,
  path_json clob not null,
  limits_json clob not null,
  conditions_json clob not null,
  readings_json clob not null,
  peaks_json clob not null,
  source_name varchar(300) not null,
  identity varchar(500) not null,
  override_reason varchar(1000) not null,
  verdict varchar(20) not null
);

create table run_trace (
  run_id bigint not null references run (id) on delete cascade,
  position int not null,
  start_hz double precision not null,
  step_hz double precision not null,
  unit varchar(20) not null,
  plane varchar(200) not null,
  rbw_hz double precision not null,
  enbw_hz double precision not null,
  segments int not null,
  window_name varchar(40) not null,
  detector varchar(40) not null,
  points int not null,
  crc32 bigint not null,
  level_deflated blob not null,
  primary key (run_id, position)
);

create table note (
  run_id bigint primary key references run (id) on delete cascade,
  text varchar(10000) not null
);
