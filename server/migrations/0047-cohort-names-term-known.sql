UPDATE cohort_names
JOIN courses ON courses.id = cohort_names.course_id
SET cohort_names.term_code = courses.term_code
