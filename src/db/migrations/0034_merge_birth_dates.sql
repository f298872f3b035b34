-- Two birth dates are the strongest sign of two people: who makes their records one all the same says why.
alter table wearer_merge add column birth_dates_reason text check (length(trim(birth_dates_reason)) >= 3);
