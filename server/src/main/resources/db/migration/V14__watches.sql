-- Numbers that are followed for hours and days. Times are milliseconds since 1970, UTC.
create table watch (
  id bigint generated always as identity primary key,
  job_id bigint not null references job (id) on delete cascade,
  name varchar(200) not null,
  source varchar(40) not null,
  source_name varchar(300) not null,
  measurement varchar(40) not null,
  title varchar(200) not null,
  settings_json clob not null,
  plan_json clob not null,
  answers_json clob not null,
  override_reason varchar(1000) not null,
  path_revision bigint not null,
  began_millis bigint not null,
  ended_millis bigint,
  why_ended varchar(1000) not null
);

-- The newest points, each by itself until there are enough for a chunk.
create table watch_point (
  watch_id bigint not null references watch (id) on delete cascade,
  at_millis bigint not null,
  numbers blob not null,
  primary key (watch_id, at_millis)
);

-- Many points together, with what they came to.
create table watch_chunk (
  watch_id bigint not null references watch (id) on delete cascade,
  first_millis bigint not null,
  last_millis bigint not null,
  points int not null,
  stretch blob not null,
  type varchar(10) not null,
  numbers int not null,
  crc32 bigint not null,
  deflated blob not null,
  primary key (watch_id, first_millis)
);

create table watch_event (
  id bigint generated always as identity primary key,
  watch_id bigint not null references watch (id) on delete cascade,
  reading int not null,
  from_millis bigint not null,
  to_millis bigint,
  worst double precision not null,
  kept varchar(1000) not null
);
create index watch_event_of on watch_event (watch_id, from_millis);

create table watch_gap (
  watch_id bigint not null references watch (id) on delete cascade,
  from_millis bigint not null,
  to_millis bigint,
  why varchar(1000) not null,
  primary key (watch_id, from_millis)
);
