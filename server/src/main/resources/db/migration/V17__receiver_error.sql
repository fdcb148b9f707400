-- Error vector magnitude that the receiver may have had by itself, dB.
alter table acquisition add error_floor_db double precision;
