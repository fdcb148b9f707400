-- How far off level and frequency of samples may be, as the instrument promised; null if not known.
alter table acquisition add column level_accuracy_db double precision;
alter table acquisition add column frequency_accuracy double precision;
alter table acquisition add column linearity_db double precision;
