<template>
  <RoomNav
    place="Inbox"
    :rooms="[{ name: 'Conversations', to: '/inbox' }, { name: 'Texts', to: '/inbox/texts' }, { name: 'Notices', to: '/inbox/notices' }]"
  />
</template>
