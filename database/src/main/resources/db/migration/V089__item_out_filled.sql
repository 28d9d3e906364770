update item i
join (select item, max(ordinal) last from revision where released_version is not null group by item) x on x.item = i.id
join revision r on r.item = i.id and r.ordinal = x.last
set i.out_title = r.title, i.out_at = greatest(coalesce(r.released_at, r.stage_since), if(r.dropped_at is null and r.pending_mark is null, r.stage_since, r.released_at))
where i.out_at is null;
