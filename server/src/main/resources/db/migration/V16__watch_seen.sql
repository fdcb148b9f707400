-- How long the samples of all looks of a watch last together; null where nobody counted.
alter table watch add column seen_seconds double precision;
