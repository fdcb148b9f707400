-- Gain from the other input of a combiner; null for all other elements.
alter table path_element add column side_gain_db double precision;
