"""What jobs take: a crew's prices and labour figures, stages and dates, estimates."""
