-- Everything was moved by the step before.
drop table run_trace;
drop table limit_set;
drop table job_network;
alter table run drop column readings_json;
alter table run drop column peaks_json;
alter table run drop column extras_json;
