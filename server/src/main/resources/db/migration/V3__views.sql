alter table run_trace add column label varchar(200) default '' not null;

alter table run add column extras_json clob default '{"tables":[],"limitLines":[]}' not null;
