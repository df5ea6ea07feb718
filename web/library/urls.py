"""Addresses of files."""

from django.urls import path

from . import views

urlpatterns = [
    path("", views.library, name="library"),
    path("send/", views.send, name="send-file"),
    path("stock/<str:name>", views.show_stock, name="show-stock"),
    path("stock/<str:name>/poster/", views.stock_poster, name="stock-poster"),
    path("<int:file_id>/", views.show, name="show-file"),
    path("<int:file_id>/poster/", views.poster, name="file-poster"),
    path("<int:file_id>/remove/", views.remove_file, name="remove-file"),
]
