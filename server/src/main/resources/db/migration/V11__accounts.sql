-- Who may sign in; and who kept a run, empty if nobody had to sign in.
create table account (
  id bigint generated always as identity primary key,
  name varchar(60) not null unique,
  role varchar(20) not null,
  hash varchar(200) not null,
  made_at timestamp with time zone not null
);
alter table run add column kept_by varchar(60) default '' not null;
