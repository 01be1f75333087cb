import './styles.css';
