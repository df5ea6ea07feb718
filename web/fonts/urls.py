"""Addresses of fonts."""

from django.urls import path

from . import views

urlpatterns = [
    path("", views.fonts_page, name="fonts"),
    path("list/", views.font_list, name="font-list"),
    path("send/", views.send, name="send-fonts"),
    path("own.css", views.own_rules, name="own-font-rules"),
    path("<int:font_id>/", views.font_file, name="font-file"),
    path("remove/", views.remove, name="remove-font"),
]
